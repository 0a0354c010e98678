"""Paper for the table: tickets, labels, cutting plans and true-size templates, as PDF by ReportLab."""

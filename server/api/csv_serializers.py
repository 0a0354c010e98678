"""CSV on the wire: what is pasted, and what came of it."""

from typing import Any

from rest_framework import serializers

__all__ = ["CsvTextSerializer", "ImportedSerializer"]


class CsvTextSerializer(serializers.Serializer[Any]):
    text = serializers.CharField(max_length=1_000_000, trim_whitespace=False)


class RefusedLineSerializer(serializers.Serializer[Any]):
    line = serializers.IntegerField()
    text = serializers.CharField()
    reason = serializers.CharField()


class ImportedSerializer(serializers.Serializer[Any]):
    added = serializers.IntegerField()
    refused = RefusedLineSerializer(many=True)

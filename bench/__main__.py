"""``make bench``: prints figures; asserts nothing. ``python -m bench blocks`` prints one part."""

import sys

from bench.arranging import print_arranging
from bench.blocks import print_blocks
from bench.ceiling import print_ceiling
from bench.clients import print_clients
from bench.cutting import print_cutting
from bench.evenings import print_evenings
from bench.full import print_full
from bench.fuzz import print_fuzz
from bench.growth import print_growth
from bench.handling import print_handling
from bench.keys import print_keys
from bench.lots import print_lots
from bench.quilts import print_quilts
from bench.records import print_records
from bench.sewers import print_sewers
from bench.speed import print_speed
from bench.storm import print_storm
from bench.thread import print_thread

PARTS = {
    "speed": print_speed,
    "blocks": print_blocks,
    "cutting": print_cutting,
    "sewers": print_sewers,
    "ceiling": print_ceiling,
    "records": print_records,
    "lots": print_lots,
    "evenings": print_evenings,
    "arranging": print_arranging,
    "quilts": print_quilts,
    "keys": print_keys,
    "handling": print_handling,
    "thread": print_thread,
    "growth": print_growth,
    "clients": print_clients,
    "fuzz": print_fuzz,
    "full": print_full,
    "storm": print_storm,
}

if __name__ == "__main__":
    for name, part in PARTS.items():
        if not sys.argv[1:] or name in sys.argv[1:]:
            part()

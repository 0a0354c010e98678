"""``make bench``: prints figures; asserts nothing."""

from bench.quilters import print_quilters
from bench.speed import print_speed

if __name__ == "__main__":
    print_speed()
    print_quilters()

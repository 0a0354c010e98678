"""Simulated quilters at a block, their truth hidden: what is named, held, found and settled, and how quickly."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import LANTERN

from bench.redraw import redrawn
from piecing.lengths import Length, inches
from piecing.sewn.asking import next_readings
from piecing.sewn.inference import Inference, infer
from piecing.sewn.readings import SewnKind, SewnReading
from piecing.sewn.verdict import Status, judge
from piecing.sewn.whatif import errors_of, outcomes
from tests.sewers import Bench, Hands, Truth, bench, every_reading, quilter

__all__ = ["print_sewers"]

_BLOCKS = (("pinwheel", "8", ("seam", "trim", "shift", "cut")), ("goose_pair", "11/2", ("seam", "trim", "tip", "cut")))
_SIZES = (("1/32", 1 / 32, 75), ("3/64", 3 / 64, 90), ("1/16", 1 / 16, 95))
_MOST = 10


def _measured(
    b: Bench,
    truth: Truth,
    rng: np.random.Generator,
    pick: Callable[[Inference], SewnReading],
    most: int = _MOST,
    enough: tuple[Status, ...] = (Status.SETTLED, Status.TRUE),
) -> tuple[Inference, int]:
    """Readings one by one until the cause is settled, three at least and ``most`` at most."""
    hands, readings = Hands(b, truth, rng), list[SewnReading]()
    while True:
        found = infer(b.model, readings, raw=b.raw)
        if len(readings) >= most or (len(readings) >= 3 and judge(found).status in enough):
            return found, len(readings)
        readings.append(hands.taken(pick(found)))


def _chosen(b: Bench) -> Callable[[Inference], SewnReading]:
    return lambda found: next_readings(found, raw=b.raw, joined=False)[0].reading


def _in_order(b: Bench) -> Callable[[Inference], SewnReading]:
    return lambda found: every_reading(b, found)[len(found.readings) % len(every_reading(b, found))]


def _of_all(b: Bench) -> Callable[[Inference], SewnReading]:
    return lambda found: next_readings(found, raw=b.raw, options=every_reading(b, found))[0].reading


def _named(quilters: int) -> None:
    print("  dominant cause by the readings asked for, ten at most     right   wrong   not settled   readings")
    held: dict[str, list[int]] = {}
    for label, size, aim in _SIZES:
        rng = np.random.default_rng(41)
        right = wrong = used = 0
        for n in range(quilters):
            name, finished, causes = _BLOCKS[n % 2]
            b, cause = bench(name, finished), causes[(n // 2) % 4]
            truth = quilter(rng, cause, size, causes)
            found, count = _measured(b, truth, rng, _chosen(b))
            v = judge(found)
            used += count
            if v.status is Status.SETTLED and v.leading is not None:
                right += v.leading.cause.value == cause
                wrong += v.leading.cause.value != cause
            for k, p in enumerate(found.parameters):
                low, high = found.interval(k)
                held.setdefault(p.cause.value, []).append(low <= getattr(truth, p.cause.value) <= high)
        rest = quilters - right - wrong
        print(
            f"    at {label:<5} (aim: right {aim}, wrong under 3)                {right / quilters:6.1%} {wrong / quilters:7.1%} "
            f"{rest / quilters:8.1%} {used / quilters:12.1f}"
        )
    shares = "   ".join(f"{k} {np.mean(v):.0%}" for k, v in held.items())
    print(f"  90% intervals that hold the truth (aim 85 to 95): {shares}")


def _settling(quilters: int) -> None:
    for label, size, _ in _SIZES[1:]:
        counts = []
        for how in ("chosen", "order"):
            total = 0
            for n in range(quilters):
                rng = np.random.default_rng(500 + n)
                name, finished, causes = _BLOCKS[n % 2]
                b = bench(name, finished)
                truth = quilter(rng, causes[(n // 2) % 4], size, causes)
                pick = _of_all(b) if how == "chosen" else _in_order(b)
                total += _measured(b, truth, rng, pick, 40, (Status.SETTLED, Status.TRUE, Status.SEVERAL))[1]
            counts.append(total / quilters)
        print(
            f"  settled at {label}: {counts[0]:.1f} readings when chosen, {counts[1]:.1f} in the order of the work: "
            f"{1 - counts[0] / counts[1]:.0%} fewer (aim 33%)"
        )


def _spoiled(quilters: int) -> None:
    b = bench("pinwheel", "8")
    causes = ("seam", "trim", "shift", "cut")
    one = inches(1)
    rng = np.random.default_rng(43)
    asked = accused = strokes = invented = 0
    ten = [SewnReading(SewnKind.STITCH, one, spot="middle")] * 4 + [SewnReading(SewnKind.WIDTH, one, batch=0)] * 4
    ten += [SewnReading(SewnKind.CUT, one, batch=0)] * 2
    eight = [SewnReading(SewnKind.WIDTH, one, batch=0)] * 3 + [SewnReading(SewnKind.HEIGHT, one, batch=0)]
    eight += [SewnReading(SewnKind.ROW, one, feature=f"row:{k}:top") for k in (0, 1)]
    eight += [SewnReading(SewnKind.STITCH, one, spot="middle")] * 2
    for n in range(quilters):
        hands = Hands(b, quilter(rng, causes[n % 4], 1 / 32, causes), rng)
        readings = [hands.taken(r) for r in ten]
        k = int(rng.integers(10))
        readings[k] = _moved(readings[k], 0.25 if rng.random() < 0.5 or k < 4 else -0.25)
        odd = [o.index for o in infer(b.model, readings, raw=b.raw).odd]
        asked += k in odd
        accused += any(o != k for o in odd)
        true = [hands.taken(r) for r in eight]
        invented += infer(b.model, true, raw=b.raw).believed is not None
        by, code = ((-0.5, "finished"), (0.5, "ruler"), (0.25, "ruler"))[n % 3]
        units = [
            0 if r.kind is SewnKind.STITCH else 2 if r.kind is SewnKind.ROW and code == "finished" else 1 for r in true
        ]
        found = infer(b.model, [_moved(r, by * u) for r, u in zip(true, units, strict=True)], raw=b.raw).believed
        strokes += found is not None and found.code.startswith(code)
    print(
        f"  one mistyped reading in ten asked about {asked / quilters:.0%} (aim 95), another one too {accused / quilters:.0%}; "
        f"discrete causes found {strokes / quilters:.0%} (aim 98), invented {invented / quilters:.0%}"
    )


def _moved(r: SewnReading, by: float) -> SewnReading:
    assert r.value is not None
    return replace(r, value=r.value + Length.near(by) if by >= 0 else r.value - Length.near(-by))


def _ms(work: Callable[[], object], times: int = 5) -> float:
    work()
    began = time.perf_counter()
    for _ in range(times):
        work()
    return 1000 * (time.perf_counter() - began) / times


def _speed() -> None:
    b = bench("paws", "21")
    hands = Hands(b, Truth(seam=1 / 32), np.random.default_rng(1))
    one = inches(1)
    wanted = [SewnReading(SewnKind(f.kind.value), one, feature=f.key) for f in b.model.features[:30]]
    wanted += [SewnReading(SewnKind.WIDTH, one, cell=c.number) for c in b.model.places.cells[:20]]
    wanted += [SewnReading(SewnKind.STITCH, one, seam=n, spot="middle") for n in range(10)]
    sixty = [hands.taken(r) for r in wanted][:60]
    found = infer(b.model, sixty, raw=b.raw)
    big = bench("four_wheels", "12")
    print(
        f"  a block of {len(b.model.places.cells)} units, 60 readings: diagnosis {_ms(lambda: judge(infer(b.model, sixty, raw=b.raw))):.0f} ms "
        f"(aim 100), next reading {_ms(lambda: next_readings(found, raw=b.raw)):.0f} ms (aim 200)"
    )
    rng = np.random.default_rng(2)
    took = _ms(lambda: outcomes(big.model, {"seam": 1 / 32}, rng, 100_000), 1)
    figures = _ms(lambda: big.model.deviations(errors_of(big.model, {"seam": 1 / 32})))
    print(
        f"  100,000 blocks of {len(big.model.places.cells)} units {took / 1000:.2f} s (aim 2); the figures of one {figures:.2f} ms"
    )


def _slider() -> None:
    with demo_server() as server, chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.url + LANTERN + "/what-if")
        page.wait_for_selector(".shown .joined")
        page.get_by_role("button", name="All true").click()
        page.get_by_role("slider", name="Stitching distance").focus()
        took = redrawn(page, ".shown svg", [*["ArrowRight"] * 8, "Tab"] * 5, 700)
    p50, p95 = np.percentile(took, [50, 95])
    print(f"  slider to redrawn block in the browser: median {p50:.0f} ms, p95 {p95:.0f} ms (aim 100)")


def print_sewers(quilters: int = 240) -> None:
    print(f"\nSimulated quilters at a block ({quilters} each), read to 1/32: pinwheels and geese")
    _named(quilters)
    _settling(quilters // 4)
    _spoiled(quilters)
    _speed()
    _slider()

"""Acts in sentences: what to take, lay, mark, sew, cut and press, as one would say it to a beginner.

A sentence is made from its act, the names of the fabrics and the school of marking, and from nothing else. Every sentence stays
under 25 words, and every word of the craft in it stands in docs/glossary.md; tests hold both. Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from ..lengths import AlongSeam, Length, finest_mark, inches
from ..messages import Capital, Listing, Message
from ..planning.on_the_way import on_mark
from ..planning.unit_plan import UnitPlan
from ..units.acts import (
    Align,
    Apart,
    Bit,
    Cutting,
    Form,
    LayCorner,
    LayPage,
    LayStack,
    MarkLines,
    Opening,
    Sewing,
    Take,
    Thing,
    Track,
    TrimSquare,
    Which,
)
from .from_map import OPEN, SeamWays
from .marking import Marking

__all__ = ["Speaker"]

Sentences = tuple[Message, ...]
_SMALL = inches(2)
"""Units that finish under this are sewn with a shorter stitch."""
_HEADINGS = {
    "take": "Take",
    "mark": "Mark",
    "lay": "Lay together",
    "sew": "Sew",
    "cut": "Cut apart",
    "press": "Press",
    "trim": "Trim on the way",
    "measure": "Measure on the way",
}


@dataclass(frozen=True)
class Speaker:
    """Says the acts of one plan; ``names`` and ``values`` (0 light to 2 dark) of the fabrics by role, ``letters`` of the piles by
    fabric, size and how often they are cut further."""

    plan: UnitPlan
    names: Mapping[str, str]
    values: Mapping[str, int]
    marking: Marking = Marking.CENTRE
    letters: Mapping[tuple[str, Length, Length, int], str] | None = None
    mapped: SeamWays = field(default_factory=SeamWays)

    # Names of things

    def fabric(self, role: str) -> str:
        """What the quilter calls a fabric."""
        return self.names.get(role, role.upper())

    def thing(self, thing: Thing) -> Message:
        """A thing on the table, by what one sees: "Tar square", "Tar and Fog piece"."""
        fabric = Listing([self.fabric(f) for f in thing.fabrics], last=" and ")
        match thing.form:
            case Form.SQUARE:
                return Message("{fabric} square", fabric=fabric)
            case Form.OBLONG:
                return Message("{fabric} rectangle", fabric=fabric)
            case Form.STRIP:
                return Message("{fabric} strip", fabric=fabric)
            case Form.PIECED:
                return Message("{fabric} piece", fabric=fabric)
        return Message("{fabric} triangle", fabric=fabric)

    def _lies(self, thing: Thing) -> Message | None:
        """How it lies, in words: the right angle above, Tar on the left."""
        told = dict(thing.lies)
        if not told:
            return None
        if "right angle" in told or "tip" in told:
            what = "right angle" if "right angle" in told else "tip"
            return Message("its {what} {where}", what=what, where=_at(told[what]))
        if "long side" in told:
            return Message("lying upright" if told["long side"] == "top" else "lying level")
        if "corner" in told:
            return Message("standing on a corner")
        role, where = next(iter(told.items()))
        return Message("{fabric} {where}", fabric=self.fabric(role), where=_at(where))

    def letter(self, bit: Bit) -> str:
        """The letter of the pile that a bit comes from; empty while nothing has a letter."""
        cuts = self.plan.cuts
        if not self.letters or bit.name not in cuts:
            return ""
        width, height = cuts[bit.name], cuts[bit.by or bit.name]
        gives = {Form.HALF: 2, Form.QUARTER: 4}.get(bit.form, 1)
        wanted = [(g, w, h) for g in (gives, 1, 2, 4) for w, h in ((width, height), (height, width))]
        for g, w, h in wanted:
            found = self.letters.get((bit.fabric, w, h, g))
            if found:
                return found
        return ""

    # Titles

    def title(self, verb: str) -> Message:
        """What a step is headed with."""
        return Message(_HEADINGS[verb])

    # What to do

    def take(self, act: Take) -> Sentences:
        """From which piles, for one set."""
        if not act.bits:
            return ()
        told = []
        for bit, n in act.bits:
            letter = self.letter(bit)
            what = self._bits(bit, n)
            told.append(
                Message("Pile {letter}: {what}.", letter=letter, what=what)
                if letter
                else Message("{what}.", what=Capital(what))
            )
        return tuple(told)

    def _bits(self, bit: Bit, n: int) -> Message:
        """So many bits, with the size that they were cut from."""
        size, fabric = self.plan.cuts[bit.name], self.fabric(bit.fabric)
        by = self.plan.cuts[bit.by] if bit.by else size
        triangles = Message("{n, plural, one {one {fabric} triangle} other {# {fabric} triangles}}", n=n, fabric=fabric)
        match bit.form:
            case Form.SQUARE:
                what = Message("{n, plural, one {one {fabric} square} other {# {fabric} squares}}", n=n, fabric=fabric)
                return Message("{what} of {size}", what=what, size=size)
            case Form.OBLONG:
                what = Message(
                    "{n, plural, one {one {fabric} rectangle} other {# {fabric} rectangles}}", n=n, fabric=fabric
                )
                return Message("{what} of {size} by {by}", what=what, size=size, by=by)
            case Form.STRIP:
                what = Message("{n, plural, one {one {fabric} strip} other {# {fabric} strips}}", n=n, fabric=fabric)
                if not bit.by:
                    return Message("{what} {size} wide", what=what, size=size)
                return Message("{what} of {size} by {by}", what=what, size=size, by=by)
            case Form.HALF:
                return Message("{what}, from a square of {size} cut once on the diagonal", what=triangles, size=size)
            case Form.QUARTER:
                return Message("{what}, from a square of {size} cut on both diagonals", what=triangles, size=size)
        if bit.mirrored:
            return Message("{what} cut round the template turned over", what=triangles)
        return Message("{what} cut round its template", what=triangles)

    def setting(self) -> Sentences:
        """Stitch, thread and needle, said once before the first seam."""
        small = min(self.plan.spec.width, self.plan.spec.height) < _SMALL
        said = [
            Message(
                "Stitch length 1.8 to 2, since the unit is small."
                if small
                else "Stitch length 2 to 2.5; thin cotton thread; a fresh needle."
            ),
            Message("Sew a scrap first, a leader, so that the first corner is not swallowed."),
        ]
        if any(m.act.how is Track.EDGE for m in self.plan.simulated.making.moments if isinstance(m.act, Sewing)):
            said.append(Message("A plate with one small hole keeps sharp ends from going down."))
        return tuple(said)

    def mark(self, act: MarkLines) -> Sentences:
        """Which lines to draw, by the school."""
        s, thing = self.plan.allowance, self.thing(act.on)
        both = act.which is Which.BOTH
        if self._sewn_on(act):
            if self.marking is Marking.GUIDE:
                return (
                    Message("Draw nothing. Lay a tape on the machine bed, straight toward you from the needle."),
                    Message("Crease the {thing} from corner to corner, if you like, to see the line.", thing=thing),
                )
            return (Message("Draw a line from corner to corner on the wrong side of the {thing}.", thing=thing),)
        if self.marking is Marking.GUIDE:
            return (
                Message("Draw nothing. Stick a guide on the machine bed, {s} to the right of the needle line.", s=s),
                Message("A second one {s} to its left serves the way back.", s=s),
            )
        over = Message("Of the two diagonals it is the one that crosses the seam.") if act.over_seam else None
        if self.marking is Marking.LINES:
            said = [
                Message(
                    "Draw two lines on the wrong side of the {thing}, {s} to either side of each diagonal."
                    if both
                    else "Draw two lines on the wrong side of the {thing}, {s} to either side of the diagonal.",
                    thing=thing,
                    s=s,
                )
            ]
        else:
            said = [
                Message(
                    "Draw both diagonals, corner to corner, on the wrong side of the {thing}."
                    if both
                    else "Draw a line from corner to corner on the wrong side of the {thing}.",
                    thing=thing,
                )
            ]
        return (*said, over) if over else tuple(said)

    def _sewn_on(self, act: MarkLines) -> bool:
        """Whether the line is sewn on: the square is flipped over a corner."""
        moments = self.plan.simulated.making.moments
        seam = next((m.key.split(" ", 1)[1] for m in moments if m.act == act), "")
        return any(m.key == f"sew {seam}" and isinstance(m.act, Sewing) and m.act.how is Track.ON for m in moments)

    def lay(self, act: LayStack | LayPage | LayCorner) -> Sentences:
        """What lies on what, and how."""
        match act:
            case LayStack():
                said = [
                    Message(
                        "Lay the {upper} on the {lower}, right sides together, edges flush.",
                        upper=self.thing(act.upper),
                        lower=self.thing(act.lower),
                    )
                ]
                if act.nested:
                    said.append(self._nested_said(act))
                elif act.upper.pieced and act.upper.lies:
                    role, where = act.upper.lies[0]
                    said.append(
                        Message(
                            "As it lies face down, its {fabric} is {where}.", fabric=self.fabric(role), where=_at(where)
                        )
                    )
                else:
                    said.append(Message("Press the pair flat, so that it clings."))
                return tuple(said)
            case LayCorner():
                corners = Listing([str(w) for w in act.at], last=" and ")
                said = [
                    Message(
                        "Lay the {upper} on the {where} corner of the {lower}, right sides together, edges flush."
                        if len(act.at) == 1
                        else "Lay one {upper} on the {where} corner each of the {lower}, right sides together.",
                        upper=self.thing(act.upper),
                        lower=self.thing(act.lower),
                        where=corners,
                    )
                ]
                lies = self._lies(act.lower)
                if lies:
                    said.insert(
                        0, Message("Lay the {lower} before you, {lies}.", lower=self.thing(act.lower), lies=lies)
                    )
                if len(act.at) > 1:
                    said.append(Message("They lap over each other in the middle: that is right."))
                return tuple(said)
            case LayPage():
                return self._page(act)

    def _nested_said(self, act: LayStack) -> Message:
        """Which fabric comes to lie on which."""
        if not act.lower.lies or not act.upper.lies:
            return Message("Push the two seams against each other until they nest.")
        role, where = act.lower.lies[0]
        over = next((r for r, w in act.upper.lies if w == where), act.upper.fabrics[0])
        return Message(
            "{over} lies on {under}, and the seams nest: their allowances push against each other.",
            over=self.fabric(over),
            under=self.fabric(role),
        )

    def _page(self, act: LayPage) -> Sentences:
        left, right = self.thing(act.left), self.thing(act.right)
        said = []
        for thing, name, side in ((act.left, left, "left"), (act.right, right, "right")):
            lies = self._lies(thing)
            said.append(
                Message("On the {side} the {thing}, {lies}.", side=side, thing=name, lies=lies)
                if lies
                else Message("On the {side} the {thing}.", side=side, thing=name)
            )
        said.append(
            Message(
                "Turn the right one over onto the left one, like a page: right sides are together, at the right edge."
            )
        )
        said.append(self._ends(act))
        if act.crossing:
            said.append(Message("Feel the ridges: the seams nest at the crossing. Pin there."))
        return tuple(said)

    def _ends(self, act: LayPage) -> Message:
        match act.align:
            case Align.ENDS:
                return Message("Both ends are flush.")
            case Align.MIDDLES:
                return Message("Crease both middles and lay crease on crease: the ends stand out alike.")
            case Align.LOWER:
                return Message("They are flush at the lower end; at the upper end one stands out.")
            case Align.UPPER:
                return Message("They are flush at the upper end; at the lower end one stands out.")
        mark = finest_mark(self.plan.choices.ruler_step)
        out = Length.near(abs(act.beyond)).round_near(mark)
        return Message(
            "At the lower end the right one stands out {out}."
            if act.beyond > 0
            else "At the lower end the right one stands {out} back.",
            out=out,
        )

    def sew(self, act: Sewing, lay: LayStack | LayPage | LayCorner | None) -> Sentences:
        """Along what, how far from it, from where, and where to slow down."""
        s = self.plan.choices.seam.stitch
        match act.how:
            case Track.BESIDE:
                return (*self._beside(s, both=act.which is Which.BOTH), *self._slow(lay))
            case Track.ROUND:
                return (
                    Message("Sew {s} from the edge along all four sides.", s=s),
                    Message("Run off at each corner and begin anew; do not pivot."),
                )
            case Track.ON:
                return (
                    Message("Sew a thread outside the line, toward the corner: the fold takes that thread.")
                    if self.marking is not Marking.GUIDE
                    else Message("Let the far corner run down the tape, a thread to the side of the corner that goes."),
                    Message("Begin at the sharp end, hold both threads, go slowly for three stitches."),
                )
        said = [Message("Sew {s} from the right edge.", s=s)]
        if isinstance(lay, LayPage):
            said += self._edge(lay)
        return tuple(said)

    def _beside(self, s: Length, *, both: bool) -> Sentences:
        match self.marking:
            case Marking.LINES:
                first = (
                    Message("Sew on one drawn line.")
                    if not both
                    else Message("Sew on the four drawn lines, one by one.")
                )
            case Marking.GUIDE:
                first = Message("Keep both corners on the needle line; sew {s} beside it, along the guide.", s=s)
            case _:
                first = Message(
                    "Sew {s} beside the line, on one side."
                    if not both
                    else "Sew {s} beside each line, on both its sides.",
                    s=s,
                )
        return (first, Message("Turn the chain round and come back on the other side."))

    def _slow(self, lay: LayStack | LayPage | LayCorner | None) -> Sentences:
        if isinstance(lay, LayStack) and lay.nested:
            return (Message("Go slowly over the crossing; a pin stays in until the needle stands before it."),)
        if isinstance(lay, LayStack) and lay.upper.pieced:
            return (Message("Keep the pieced one underneath, if you can, and go slowly over its seam."),)
        if isinstance(lay, LayCorner):
            return (Message("Go slowly where the seam begins and ends."),)
        return ()

    def _edge(self, lay: LayPage) -> list[Message]:
        said = []
        if lay.right.pieced and not lay.left.pieced:
            said.append(Message("Turn the pair over, so that the pieced one lies underneath."))
        elif lay.left.form in (Form.HALF, Form.QUARTER) and lay.right.form is Form.STRIP:
            said.append(Message("Keep the triangle underneath: the feed takes up what the bias gives."))
        elif lay.left.pieced and not lay.right.pieced:
            said.append(Message("The pieced one lies underneath, as it should."))
        told = dict(lay.left.lies)
        if lay.left.form is Form.QUARTER and lay.right.form is Form.QUARTER and not lay.left.long_side:
            said.append(Message("Begin at the right angle and sew outward."))
        elif lay.align in (Align.LOWER, Align.UPPER):
            said.append(
                Message(
                    "Begin at the {end}, where one stands out: the needle enters in the notch.",
                    end="upper end" if lay.align is Align.LOWER else "lower end",
                )
            )
        elif lay.crossing:
            said.append(Message("Begin at either end; the crossing matters, the ends do not. Go slowly over it."))
        elif "right angle" in told or lay.align is Align.MIDDLES:
            said.append(Message("Lift, do not pull; hold the last {half} straight.", half=AlongSeam(1)))
        else:
            said.append(Message("Hold the last {half} straight.", half=AlongSeam(1)))
        return said

    def cut(self, act: Apart) -> Sentences:
        """Where to cut and in which order."""
        s = self.plan.allowance
        match act.how:
            case Cutting.LINE:
                return (
                    Message("Cut on the drawn line.")
                    if self.marking is Marking.CENTRE
                    else Message("Cut from corner to corner, midway between the two seams."),
                )
            case Cutting.BOTH:
                return (Message("Cut on one diagonal, then on the other, and move nothing in between."),)
            case Cutting.EIGHT:
                return (
                    Message("Cut into four squares first: halfway across, then halfway up."),
                    Message("Then cut each square on its diagonal, between its two seams. Move nothing in between."),
                )
            case Cutting.OFF:
                return (
                    Message("Fold the corner back first: cut only when it reaches the edges of the square beneath."),
                    Message("Then cut both layers off, {s} outside the seam.", s=s),
                )
            case Cutting.ACROSS:
                return (Message("Square up one end. Cut across every {w}.", w=self.plan.cuts["square"]),)
        return (
            Message("Lay the ruler's {s} line on the inner corner of the square, the seams alike on both sides.", s=s),
            Message("Cut along the ruler: that trues the long edge."),
        )

    def press(self, out: tuple[tuple[Thing, int], ...], lay: LayStack | LayPage | LayCorner | None) -> Sentences:
        """Set, open, and toward what."""
        said = [Message("Set the seam closed. Open it with a finger, then with the iron, up and down.")]
        said.append(self.toward(lay))
        n = sum(times for _, times in out)
        if n > 1:
            said.append(Message("Out of one set come {n} of them.", n=n))
        return tuple(said)

    def toward(self, lay: LayStack | LayPage | LayCorner | None) -> Message:
        """Where the allowances go: with the corner that is folded back, away from what is pieced, else to the darker cloth."""
        told = self._as_mapped(lay)
        if told is not None:
            return told
        match lay:
            case LayCorner():
                return Message("Press toward the {thing}, which is folded back.", thing=self.thing(lay.upper))
            case LayStack(nested=True):
                return Message("Press to one side, or spin the crossing; let it cool under a weight.")
            case LayStack() | LayPage():
                one, other = (lay.lower, lay.upper) if isinstance(lay, LayStack) else (lay.left, lay.right)
                if one.pieced and other.pieced:
                    return Message(
                        "Press it open where the seams meet, or spin the crossing; let it cool under a weight."
                    )
                if one.pieced != other.pieced:
                    plain = other if one.pieced else one
                    return Message("Press toward the {thing}, away from the pieced one.", thing=self.thing(plain))
                if isinstance(lay, LayPage) and self._grows(lay):
                    # One more is added to it later in the same way: all of them go outward.
                    return Message("Press toward the {thing}.", thing=self.thing(lay.right))
                darker = self.darker(one.fabrics[0], other.fabrics[0])
                return Message("Press toward {fabric}.", fabric=self.fabric(darker))
        return Message("Press flat.")

    def _as_mapped(self, lay: LayStack | LayPage | LayCorner | None) -> Message | None:
        """What the block's pressing map says of this seam, where it lies between two plain fabrics."""
        if lay is None:
            return None
        one, other = (lay.left, lay.right) if isinstance(lay, LayPage) else (lay.lower, lay.upper)
        sides = [t.edge or t.fabrics for t in (one, other)]
        if isinstance(lay, LayCorner):
            sides[0] = sides[0][:1]
        if any(len(s) != 1 for s in sides):
            return None
        ways = self.mapped.of(sides[0][0], sides[1][0])
        if not ways:
            return None
        if len(ways) > 1:
            told = [
                Message("{n} open", n=n) if w == OPEN else Message("{n} toward {fabric}", n=n, fabric=self.fabric(w))
                for w, n in ways.most_common()
            ]
            return Message(
                "By the pressing map, in one block: {ways}. Keep them apart.", ways=Listing(told, last=" and ")
            )
        (way,) = ways
        if way == OPEN:
            return Message("Press it open, as the pressing map has it.")
        return Message("Press toward {fabric}, as the pressing map has it.", fabric=self.fabric(way))

    def _grows(self, lay: LayPage) -> bool:
        """Whether a plain piece is laid on the result later."""
        moments = self.plan.simulated.making.moments
        seam = next((m.key.split(" ", 1)[1] for m in moments if m.act == lay), "")
        out = next((m.act.out for m in moments if m.key == f"open {seam}" and isinstance(m.act, Opening)), ())
        made = {t.number for t, _ in out}
        return any(isinstance(m.act, LayPage) and m.act.left.number in made and not m.act.right.pieced for m in moments)

    def darker(self, one: str, other: str) -> str:
        """Of two fabrics the darker; the first of two alike."""
        return other if self.values.get(other, 1) > self.values.get(one, 1) else one

    def trim(self, act: TrimSquare) -> Sentences:
        """A size on the way."""
        mark = finest_mark(self.plan.choices.ruler_step)
        raw = Length.near(act.raw).round_near(mark)
        if act.side is None:
            return (Message("They measure about {raw} now. They are not trimmed here.", raw=raw),)
        return (
            Message("They measure about {raw}. Trim each to {size}.", raw=raw, size=on_mark(act.side, mark)),
            Message("Lay the ruler's 45-degree line on the seam, so that it runs through both corners."),
        )

    # What to look at

    def check(self, act: object, *, handed: bool) -> Sentences:
        """What to look at before going on."""
        match act:
            case LayStack() | LayPage() | LayCorner():
                said = [
                    Message("Look: you see wrong sides only. Peel the upper one back and see what it will become.")
                    if isinstance(act, LayStack)
                    else Message(
                        "Look: of the upper one you see the wrong side, of the lower one, where it stands out, the right side. Peel "
                        "the upper one back and see what it will become."
                    )
                ]
                if handed:
                    said.append(Message("This unit has a hand. Keep one made right beside the machine."))
                return tuple(said)
            case Sewing(how=Track.ON):
                return (
                    Message("Folded back, the corner reaches both edges beneath. If not, sew again nearer the corner."),
                )
            case Opening():
                return (Message("No pleat beside the seam; the right side is flat."),)
        return ()


def _at(where: str) -> str:
    return {
        "top": "at the top",
        "bottom": "at the bottom",
        "left": "on the left",
        "right": "on the right",
    }.get(where, f"at the {where}")

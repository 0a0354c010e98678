"""What nobody means is refused with a reason: no answer of 5xx, and nothing kept that cannot be read again."""

from __future__ import annotations

import json
from base64 import b64encode
from io import BytesIO
from uuid import uuid4

from PIL import Image

from .api import ApiCase

_NO_LENGTH = (
    "9" * 5000, "1/" + "9" * 5000, "1e400", "١٢", "a\x00b", "1e-9", "-1", "inf", "nan", "1/0", "9" * 30 + "/7",
    [1], {"a": 1}, True, None, 1e308, 10**400,
)  # fmt: skip


def _photo(kind: str, side: int = 40) -> str:
    made = BytesIO()
    Image.new("RGB", (side, side), "#1d4e89").save(made, kind)
    return f"data:image/{kind.lower()};base64,{b64encode(made.getvalue()).decode()}"


class HostileTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"

    def raw(self, body: bytes) -> tuple[int, str]:
        answer = self.client.patch(f"/api/{self.path}", body, "application/json")
        return answer.status_code, answer["Content-Type"]

    def test_no_field_takes_what_is_no_length(self) -> None:
        unit = f"units/{self.project['units'][0]['id']}"
        for value in _NO_LENGTH:
            for path, fields in (
                (unit, ("finished", "count", "method")),
                (self.path, ("seam_allowance", "ruler_step")),
            ):
                for field in fields:
                    with self.subTest(field, value=repr(value)[:30]):
                        body = json.dumps({"changes": {field: value}})
                        answer = self.client.patch(f"/api/{path}", body, "application/json")
                        self.assertIn(answer.status_code, (400, 422), answer.content)
                        self.assertEqual(answer["Content-Type"], "application/problem+json")
        self.assertEqual(self.ask("get", self.path)["ruler_step"], self.project["ruler_step"])

    def test_a_step_finer_than_any_ruler_and_a_seam_that_frays_out_are_refused(self) -> None:
        for field, value in (("ruler_step", "0.000001"), ("ruler_step", "1/128"), ("seam_allowance", "1/32")):
            with self.subTest(field):
                self.change(self.path, {field: value}, expect=422)
        self.change(self.path, {"ruler_step": "1/64", "seam_allowance": "1/16"})
        self.change("workroom", {"reading_step": "0.000001"}, expect=422)

    def test_bodies_that_nobody_can_mean(self) -> None:
        bodies = {
            "a name twice": b'{"changes": {"name": "a", "name": "b"}}',
            "half a character": b'{"changes": {"name": "\\ud800"}}',
            "no number": b'{"changes": {"name": NaN}}',
            "no text": b"\xff",
            "bottomless": b"[" * 100_000,
            "digits by the thousand": b'{"changes": {"count": ' + b"9" * 5000 + b"}}",
            "nothing": b"",
        }
        for what, body in bodies.items():
            with self.subTest(what):
                self.assertEqual(self.raw(body), (400, "application/problem+json"))

    def test_a_name_can_be_seen_and_is_text(self) -> None:
        for name in ("\u200b\u200b", "\u202e", "   ", "\x00", 12, ["a"], True):
            with self.subTest(repr(name)):
                self.change(self.path, {"name": name}, expect=422)
                if isinstance(name, str) and name.strip():
                    new = {"id": str(uuid4()), "name": name}
                    self.ask("post", "projects", new, expect=400 if "\0" in name else 422)
        self.assertEqual(self.change(self.path, {"name": "Wa\u202eke\u200b\n row"})["name"], "Wa ke row")

    def test_a_swatch_is_a_photo_that_can_be_shown(self) -> None:
        fabric = f"fabrics/{self.project['fabrics'][0]['id']}"
        for kind in ("JPEG", "PNG", "WEBP"):
            with self.subTest(kind):
                kept = self.change(fabric, {"swatch": _photo(kind)})["fabrics"][0]
                self.assertEqual(kept["swatch"], _photo(kind))
        wrong = (
            "data:image/png;base64,AAAA",
            _photo("PNG").replace("png", "text/html"),
            _photo("GIF"),
            _photo("PNG", 700),
        )
        for swatch in (*wrong, _photo("JPEG")[:60], "javascript:1", 5):
            with self.subTest(str(swatch)[:40]):
                self.change(fabric, {"swatch": swatch}, expect=422)
        self.assertEqual(self.change(fabric, {"swatch": ""})["fabrics"][0]["swatch"], "")

    def test_another_projects_things_are_not_here(self) -> None:
        other = self.new_project()
        unit, fabric = self.project["units"][0]["id"], self.project["fabrics"][0]["id"]
        self.ask("put", f"projects/{other['id']}/fabrics/{fabric}", {"changes": {}}, expect=404)
        self.ask("post", f"projects/{other['id']}/units", {"id": unit, "kind": "flying_goose"}, expect=404)
        self.ask("put", f"{self.path}/blocks/{self.project['id']}", {"start": "shoo_fly", "changes": {}})
        self.ask("put", f"projects/{other['id']}/blocks/{self.project['id']}", {"changes": {}}, expect=404)

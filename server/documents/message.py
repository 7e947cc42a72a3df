"""The shopping list as plain text, short enough to paste into a message."""

from server.documents.planned import Planned
from server.documents.sheets import packs_in_words


def list_message(made: Planned) -> str:
    """One line for each thing to buy, with its count first, and the total."""
    project, shopping = made.project, made.plan.shopping
    head = project.name
    if project.yard:
        head += f", {project.yard.name}"
    lines = [head, ""]
    for line in shopping.lines:
        spare = ", spare" if line.spare else ""
        lines.append(f"{line.count} × {line.stock} {line.named_length}{spare}")
    for item in shopping.hardware.lines:
        length = f" {item.length.text}" if item.length else ""
        packs = packs_in_words(item)
        lines.append(f"{item.needed} × {item.name}{length}" + (f" ({packs})" if packs else ""))
    if not shopping.lines and not shopping.hardware.lines:
        lines.append("nothing to buy")
    note = f", {shopping.total_note}" if shopping.total_note else ""
    lines += ["", f"total {shopping.total}{note}"]
    return "\n".join(lines) + "\n"

"""How a maker finds things: by role and by label."""

from __future__ import annotations

from playwright.sync_api import Locator, Page


class RecipePage:
    """Where a recipe is pasted and reviewed."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.text = page.get_by_label("Paste it as you found it")
        self.lines = page.get_by_role("list", name="Lines as read").get_by_role("listitem")
        self.take = page.get_by_role("button", name="Take it to the Desk")

    def paste(self, text: str) -> None:
        self.text.fill(text)
        self.take.wait_for()


class DeskPage:
    """The Desk of one formula."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.name = page.get_by_label("Name of the formula")
        self.new_line = page.get_by_role("combobox", name="New line")
        self.method = page.get_by_label("Method")
        self.saturation = page.locator("[data-reading='dough.saturation']")
        self.batch = page.locator("[data-reading='mass_g']")
        self.saved = page.get_by_role("status").filter(has_text="Saved.")

    def amount(self, ingredient: str) -> Locator:
        return self.page.get_by_label(f"Amount of {ingredient}")

    def unfold(self, question: str) -> None:
        """Show all strips of a question that is answered as wanted."""
        self.answer(question).get_by_role("button", name=question, expanded=False).click()

    def answer(self, question: str) -> Locator:
        return self.page.get_by_role("region", name=question)

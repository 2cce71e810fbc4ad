"""The house of all stations: what their modules declare while they are imported is collected here."""

from fahrtwind.core.engine.rule import Rules
from fahrtwind.core.engine.stage import House

house = House()
rules = Rules(house)
view, stage, working, rule = house.view, house.stage, house.working, rules.rule

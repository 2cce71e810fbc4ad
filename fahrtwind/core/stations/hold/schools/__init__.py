"""Ways to hold a panel: each a folder of its own with chain, marks, materials, work and rules. A new one is a
line here.
"""

from fahrtwind.core.job.panel import Holding
from fahrtwind.core.stations.hold.schools import base_plate, bolts, one_sided, outer_foot, screws, tape
from fahrtwind.core.stations.hold.schools.school import School

SCHOOLS: dict[str, School] = {
    school.name: school
    for school in (
        screws.SCHOOL,
        bolts.SCHOOL,
        one_sided.SCHOOL,
        tape.SCHOOL,
        base_plate.SCHOOL,
        outer_foot.SCHOOL,
    )
}


def school_of(hold: Holding) -> School:
    return SCHOOLS[hold.school]

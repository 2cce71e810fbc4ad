"""What can be done in the survey beyond setting, adding and removing."""

from typing import Literal

from fahrtwind.core.job.document import Job, VehicleKind
from fahrtwind.core.job.edits import JobEdit
from fahrtwind.core.job.paths import rebuilt
from fahrtwind.core.stations.survey.templates import fill_from_template


class ApplyTemplate(JobEdit):
    """Fill what is still blank with the usual size of a kind of vehicle."""

    op: Literal["apply_template"] = "apply_template"
    template: VehicleKind

    def apply(self, job: Job) -> Job:
        return rebuilt(job, fill_from_template(job, self.template), job.units)

    def words(self) -> str:
        return f"Started from the usual {self.template}"

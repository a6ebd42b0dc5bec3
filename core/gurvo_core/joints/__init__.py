"""Bolted joints: threads (``thread``), what a bolt bears (``strength``), torque and preload (``preload``), stiffness and angle
(``stiffness``), what a figure means (``meaning``), the wrench (``wrench``), the order of pulls (``order``), all pulls of a joint
(``sequence``), judging one (``judge``), traces (``trace``), what is wrong with a joint's page in a document (``faults``).

``job`` is the same subject on the bench.
"""

__all__: list[str] = []

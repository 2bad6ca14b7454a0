"""Seats with the usual shares; a spring's two hangers share its load evenly (common practice)."""

from django.test import SimpleTestCase

from nodulant.job.fresh.seats import even_seats, seats_at_both_ends
from nodulant.survey.vehicle import Seat

FRONT = Seat(id="f", name="front hanger", axle="front", x_mm=-520.0, share=1.0)
REAR = Seat(id="r", name="hanger", axle="rear", x_mm=2300.0, share=0.7)


class SharesTest(SimpleTestCase):
    def test_each_axle_by_itself(self) -> None:
        two = REAR.model_copy(update={"id": "r2", "share": 0.9})
        found = even_seats((FRONT, REAR, two), "rear")
        self.assertEqual([s.share for s in found], [1.0, 0.5, 0.5])

    def test_the_other_end_lies_as_far_beyond_the_line(self) -> None:
        found = seats_at_both_ends((FRONT, REAR), "rear", 2900.0)
        self.assertEqual([s.x_mm for s in found], [-520.0, 2300.0, 3500.0])
        self.assertEqual([s.share for s in found if s.axle == "rear"], [0.5, 0.5])
        self.assertEqual(len({s.id for s in found}), 3)

    def test_a_name_already_taken_is_not_given_again(self) -> None:
        other = FRONT.model_copy(update={"id": "r-2"})
        self.assertEqual(len({s.id for s in seats_at_both_ends((other, REAR), "rear", 2900.0)}), 3)

    def test_an_axle_without_a_seat_stays_so(self) -> None:
        self.assertEqual(seats_at_both_ends((FRONT,), "rear", 2900.0), (FRONT,))

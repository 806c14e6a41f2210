/** What a phone shows of the frame only when asked: the ribbon, and what belongs to the place that is open. */
class Unfolded {
	ribbon = $state(false);
	right = $state(false);
}

export const unfolded = new Unfolded();

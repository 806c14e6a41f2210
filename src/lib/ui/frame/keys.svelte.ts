const STORED = 'harrow-single-keys';

class Keys {
	private state = $state(typeof localStorage === 'undefined' || localStorage.getItem(STORED) !== 'off');

	/** Whether single keys do something; kept in this browser. */
	get on(): boolean {
		return this.state;
	}
	set on(value: boolean) {
		this.state = value;
		localStorage.setItem(STORED, value ? 'on' : 'off');
	}
}

export const keys = new Keys();

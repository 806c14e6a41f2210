<script lang="ts">
	import type { PersonView } from '$core/pages/board';

	let { person, seed = 0 }: { person: Pick<PersonView, 'name' | 'initials'>; seed?: number } = $props();
	const tones = ['river', 'moss', 'ochre', 'plum', 'brick', 'soil'];
</script>

<span class="tag {tones[seed % tones.length]}" title={person.name}
	><span aria-hidden="true">{person.initials}</span><span class="sr-only">{person.name}</span></span
>

<style>
	.tag {
		display: inline-flex;
		align-items: center;
		justify-content: center;
		min-width: 24px;
		height: 20px;
		padding: 0 3px;
		font-weight: 700;
		font-size: 12px;
		border-radius: 2px 7px 2px 2px;
		flex: none;
		color: light-dark(#123040, #f2eadb);
		background: var(--river-2);
	}
	.moss {
		background: light-dark(#cfdccf, #35523f);
	}
	.ochre {
		background: light-dark(#f0dcb2, #5a4215);
	}
	.plum {
		background: light-dark(#e6d3e6, #54405a);
	}
	.brick {
		background: light-dark(#f0d2c8, #62382c);
	}
	.soil {
		background: light-dark(#dedabb, #4d4a2c);
	}
</style>

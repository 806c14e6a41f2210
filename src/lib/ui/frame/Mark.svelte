<script lang="ts">
	/** Harrow's mark, so many pixels wide, drawn in the colour of the text. */
	let { width }: { width: number } = $props();
</script>

<svg {width} height={(width * 18) / 20} viewBox="0 0 20 18" aria-hidden="true"
	><path
		d="M1 3h18M4 3v8l2 4M10 3v8l2 4M16 3v8l2 4"
		fill="none"
		stroke="currentColor"
		stroke-width="2"
	/></svg
>

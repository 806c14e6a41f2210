import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	// Command classes carry class-validator decorators; without this they would stay in the server bundle as they are.
	oxc: { decorator: { legacy: true } },
});

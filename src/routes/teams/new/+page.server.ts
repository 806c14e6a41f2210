export const load = () => ({ title: 'Make a team' });

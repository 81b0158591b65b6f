export const NoiseView = () => <p>Nothing but birds</p>;

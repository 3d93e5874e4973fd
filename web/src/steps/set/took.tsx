export const Took = ({ seconds }: { seconds: number }) => <p className="soft">It took {seconds.toFixed(1)} s.</p>;

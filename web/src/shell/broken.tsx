import { Button } from '@mantine/core';
import { useRouteError } from 'react-router';

/** A fault of the program: what is waiting is kept in the browser, and the page can be opened again. */
export const Broken = () => {
  const error = useRouteError();
  return (
    <main style={{ padding: 40, maxWidth: 640 }}>
      <h1>This page of Yunta broke</h1>
      <p>What you changed is kept: it was sent, or waits in this browser and is sent when the page opens again.</p>
      <p className="soft mono">{error instanceof Error ? error.message : String(error)}</p>
      <p style={{ display: 'flex', gap: 10 }}>
        <Button onClick={() => location.reload()}>Open it again</Button>
        <Button variant="default" component="a" href="/">
          All rigs
        </Button>
      </p>
    </main>
  );
};

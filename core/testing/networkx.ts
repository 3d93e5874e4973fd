import { execFileSync } from 'node:child_process';

/** How many cycles the cycle basis of a graph has, by networkx; a plain graph, so parallel edges go over a node of their own. */
const PROGRAM = `
import json, sys, networkx
for edges in json.load(sys.stdin):
    graph = networkx.Graph()
    for i, (a, b) in enumerate(edges):
        graph.add_edge(a, "edge %d" % i)
        graph.add_edge("edge %d" % i, b)
    print(len(networkx.cycle_basis(graph)))
`;

/** Independent cycles of graphs, each a list of edges between named nodes, worked out by networkx. */
export const askNetworkx = (graphs: readonly (readonly (readonly [string, string])[])[]): readonly number[] =>
  execFileSync('/usr/bin/python3', ['-c', PROGRAM], { input: JSON.stringify(graphs), encoding: 'utf8' })
    .trim()
    .split('\n')
    .map(Number);

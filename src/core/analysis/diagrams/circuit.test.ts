/** Circuits: what sums and fractions come to, and how they change with each weight, against small steps of the weights. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Circuit, ONE, UNWEIGHTED, ZERO, type Term, type Weight } from './circuit';

/** A circuit of two weights, and what it comes to under some of them. */
function circuitOf(make: (circuit: Circuit, x: Weight, y: Weight) => Term) {
  const circuit = new Circuit();
  const [x, y] = [circuit.weight(), circuit.weight()];
  const root = make(circuit, x, y);
  return (a: number, b: number) => {
    circuit.setWeight(x, a);
    circuit.setWeight(y, b);
    circuit.sweep();
    return circuit.valueOf(root);
  };
}

describe('a circuit', () => {
  it('adds products up, and shares what is the same', () => {
    const value = circuitOf((circuit, x, y) => {
      const product = circuit.sum([[x, circuit.sum([[y, ONE]])]]);
      return circuit.sum([
        [x, product],
        [UNWEIGHTED, product],
        [y, ZERO],
      ]);
    });
    assert.equal(value(2, 3), 2 * 6 + 6);
    assert.equal(value(0, 3), 0);
    const circuit = new Circuit();
    const x = circuit.weight(5);
    assert.equal(circuit.sum([[x, ZERO]]), ZERO);
    assert.equal(circuit.sum([[UNWEIGHTED, ONE]]), ONE);
    assert.equal(circuit.weightOf(x), 5);
  });

  it('takes the other fraction where the first has nothing to divide by, and 0 where neither has', () => {
    const fraction = circuitOf((circuit, x, y) => {
      const [of, by] = [circuit.sum([[x, ONE]]), circuit.sum([[y, ONE]])];
      return circuit.ratio(of, by, ONE, of);
    });
    assert.equal(fraction(6, 3), 2);
    assert.equal(fraction(4, 0), 1 / 4);
    assert.equal(fraction(0, 0), 0);
    // One of the two is nothing from the start: the other still counts.
    const second = circuitOf((circuit, x, y) =>
      circuit.ratio(ZERO, ZERO, circuit.sum([[x, ONE]]), circuit.sum([[y, ONE]])),
    );
    assert.equal(second(6, 3), 2);
    const first = circuitOf((circuit, x, y) =>
      circuit.ratio(circuit.sum([[x, ONE]]), circuit.sum([[y, ONE]]), ZERO, ZERO),
    );
    assert.equal(first(6, 3), 2);
    assert.equal(new Circuit().ratio(ZERO, ONE, ZERO, ONE), ZERO);
  });
});

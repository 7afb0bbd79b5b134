/** Answer lists: pasted lines, free codes, kinds. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { readDocument } from '../document/read';
import type { Option, Question } from '../document/types';
import { applyChange, type Change } from './change';
import {
  addOptions,
  moveOption,
  OPTION_KINDS,
  optionKind,
  optionsFromPaste,
  removeOption,
  setOptionKind,
} from './options';

const PLACE = { section: 0, item: 0 };

function after(...changes: readonly Change[]): readonly Option[] {
  const start = questionnaire([section('a', [ask('q', 2)])]);
  const end = changes.reduce((document, change) => applyChange(document, change).document, start);
  assert.ok(readDocument(end).ok);
  const { answer } = end.sections[0]?.items[0] as Question;
  return 'options' in answer ? answer.options : [];
}

describe('answer lists', () => {
  it('take pasted lines, with their codes where the paste has some', () => {
    assert.deepEqual(optionsFromPaste('- Gas\n\n2) Oil \n 7 = Wood\n8\tPeat\nCoal\t9\nElectric: mains'), [
      { label: 'Gas' },
      { label: 'Oil' },
      { label: 'Wood', code: 7 },
      { label: 'Peat', code: 8 },
      { label: 'Coal', code: 9 },
      { label: 'Electric: mains' },
    ]);
  });

  it('give new options free codes', () => {
    const options = after(
      addOptions(PLACE, 1, [{ label: 'x' }, { label: 'y', code: 1 }, { label: 'z', code: 9 }]),
    );
    assert.deepEqual(
      options.map(({ code, label }) => [code, label]),
      [
        [1, 'Answer 1'],
        [3, 'x'],
        [4, 'y'],
        [9, 'z'],
        [2, 'Answer 2'],
      ],
    );
  });

  it('move, lose and change the kind of options', () => {
    assert.deepEqual(
      after(moveOption(PLACE, 0, 1)).map(({ code }) => code),
      [2, 1],
    );
    assert.equal(after(removeOption(PLACE, 0)).length, 1);
    for (const kind of OPTION_KINDS) {
      const [option] = after(setOptionKind(PLACE, 0, 'refused'), setOptionKind(PLACE, 0, kind));
      assert.equal(option && optionKind(option), kind);
    }
  });
});

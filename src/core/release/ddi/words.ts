/** Words and commands as DDI writes them: with their language, and with the language of the command. */
import { element, type Element } from '../../exchange/element';

/** What conditions are written in; a reader that knows another leaves them be. */
export const LANGUAGE = 'Jolly Fork condition';
/** What DDI has no element for goes along under its name in the questionnaire, behind this. */
export const OWN = 'jolly-fork:';

export class Words {
  constructor(private readonly language: string) {}

  /** `<r:Label><r:Content>`, or null where there is nothing to say. */
  content(name: string, text: string | null | undefined): Element | null {
    if (text === null || text === undefined || text === '') return null;
    return element(name, {}, element('r:Content', { 'xml:lang': this.language }, text));
  }

  /** `<d:QuestionItemName><r:String>`. */
  string(name: string, text: string): Element {
    return element(name, {}, element('r:String', { 'xml:lang': this.language }, text));
  }

  /** `<d:QuestionText><d:LiteralText><d:Text>`. */
  literal(name: string, text: string): Element {
    return element(
      name,
      {},
      element('d:LiteralText', {}, element('d:Text', { 'xml:lang': this.language }, text)),
    );
  }

  /** A condition with its sentence beside it. */
  command(name: string, condition: string, sentence: string | null): Element {
    return element(
      name,
      {},
      this.content('r:Description', sentence),
      element(
        'r:Command',
        {},
        element('r:ProgramLanguage', {}, LANGUAGE),
        element('r:CommandContent', {}, condition),
      ),
    );
  }

  /** Properties that DDI has no element for, as JSON. */
  own(properties: Readonly<Record<string, unknown>>): Element[] {
    return Object.entries(properties).flatMap(([key, value]) =>
      value === undefined
        ? []
        : [
            element(
              'r:UserAttributePair',
              {},
              element('r:AttributeKey', {}, `${OWN}${key}`),
              element('r:AttributeValue', {}, JSON.stringify(value)),
            ),
          ],
    );
  }
}

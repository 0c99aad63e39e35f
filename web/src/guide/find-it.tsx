import { Button, Tag } from 'antd';
import { connectors, matching, nextQuestion, type Feature, type Seen } from '@fairwatt/core';
import { GuideDrawing } from './guide-drawing.tsx';
import { answerText, features, questionText } from './words.ts';
import styles from './guide.module.css';

/** A few questions about what one sees, and what is left of the connectors. */
export function FindIt({
  seen,
  passed,
  onAnswer,
  onPass,
  onTakeBack,
  onShow,
}: {
  readonly seen: Seen;
  readonly passed: readonly Feature[];
  readonly onAnswer: (feature: Feature, answer: string | number) => void;
  readonly onPass: (feature: Feature) => void;
  readonly onTakeBack: (feature: Feature) => void;
  readonly onShow: (id: string) => void;
}) {
  const left = matching(connectors, seen);
  const question = nextQuestion(connectors, seen, passed);
  const said = features.flatMap((feature) => {
    const answer = seen[feature];
    return answer == null ? [] : [{ feature, answer }];
  });
  return (
    <>
      {said.length + passed.length > 0 && (
        <div className={styles.said} aria-label="What was answered">
          {said.map(({ feature, answer }) => (
            <Tag key={feature} closable onClose={() => onTakeBack(feature)}>
              {questionText[feature]} {answerText(feature, answer)}
            </Tag>
          ))}
          {passed.map((feature) => (
            <Tag key={feature} closable onClose={() => onTakeBack(feature)}>
              {questionText[feature]} not to be seen
            </Tag>
          ))}
        </div>
      )}
      {question !== null && (
        <section aria-labelledby="guide-question">
          <h2 id="guide-question">{questionText[question.feature]}</h2>
          <div className={styles.answers}>
            {[...question.answers]
              .sort((a, b) => (typeof a === 'number' && typeof b === 'number' ? a - b : 0))
              .map((answer) => (
                <Button key={answer} size="large" onClick={() => onAnswer(question.feature, answer)}>
                  {answerText(question.feature, answer)}
                </Button>
              ))}
            <Button type="link" onClick={() => onPass(question.feature)}>
              I cannot see that
            </Button>
          </div>
        </section>
      )}
      <h3 aria-live="polite">{left.length === 1 ? 'It is this one' : `${left.length} are left`}</h3>
      <ul className={styles.left}>
        {left.map((connector) => (
          <li key={connector.id}>
            <Button type="text" className={styles.tile ?? ''} onClick={() => onShow(connector.id)}>
              <GuideDrawing connector={connector} width={150} />
              <span>{connector.name}</span>
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

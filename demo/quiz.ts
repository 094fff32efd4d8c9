/** What the crew asks somebody before they open the dome for the first time. */
import type { ItemInFile } from '@/services';

type Quiz = NonNullable<Extract<ItemInFile, { kind: 'activity' }>['quiz']>;

export const firstOpeningQuiz: Quiz = {
  passMark: 75,
  attempts: 3,
  wait: 30,
  minutes: 20,
  draw: 6,
  shuffle: true,
  counts: 'best',
  answers: 'after passing',
  questions: [
    {
      kind: 'one',
      id: 'flask',
      text: 'You have a flask of tea and both boots on the ground. How does the flask get to the platform?',
      options: [
        {
          text: 'In one hand, with the other on the ladder',
          feedback: 'That leaves two feet and half a hand. Three points, always.',
        },
        { text: 'In the bucket, on the line, after you', right: true },
        { text: 'In a coat pocket', feedback: 'It will find the seventh rung before you do.' },
        { text: 'Somebody at the foot throws it', feedback: 'We have tried this.' },
      ],
      feedback: 'The bucket is for everything that isn’t you.',
    },
    {
      kind: 'several',
      id: 'closed',
      text: 'On which nights is the platform closed?',
      options: [
        { text: 'The wind is above force six', right: true },
        { text: 'There is ice on the seventh rung', right: true },
        { text: 'The moon is full', feedback: 'Dull for galaxies, and no trouble to the ladder.' },
        { text: 'A school is on the lawn', feedback: 'Then there is all the more reason to be up there.' },
      ],
    },
    {
      kind: 'number',
      id: 'rungs',
      text: 'How many rungs has the ladder?',
      right: 11,
      feedback: 'You will count them in the dark, so it helps to know when to stop.',
    },
    {
      kind: 'number',
      id: 'dark',
      text: 'Somebody switches on the kitchen light, and your eyes have to start again. About how many minutes until they have learnt the dark?',
      right: 30,
      tolerance: 5,
      feedback: 'Half an hour, for everybody within sight of the window.',
    },
    {
      kind: 'text',
      id: 'white',
      text: 'A screw has gone between the boards and you need a *bright* light for it. Which word do you call before you count to five?',
      accepted: ['white', 'white light'],
      feedback: 'So that people can turn away in time.',
    },
    {
      kind: 'order',
      id: 'opening',
      text: 'Two people open the shutter. What happens first, and what comes after?',
      points: 2,
      steps: [
        'You look along the rail, all of it, and say: clear',
        'You say: opening, and the other one answers',
        'A hand’s breadth, and stop',
        'You listen to the chain',
        'On to the mark, and the brake',
      ],
    },
    {
      kind: 'pairs',
      id: 'places',
      text: 'Everything has its place. Which?',
      points: 2,
      pairs: [
        { left: 'Telephones', right: 'In the kitchen, in the drawer with the lining' },
        { left: 'A red torch', right: 'Pointed at your own feet' },
        { left: 'The second person', right: 'At the foot of the ladder' },
        { left: 'A car that comes late', right: 'Met at the gate, with the red lamp' },
      ],
    },
    {
      kind: 'one',
      id: 'stop',
      text: 'Half way to the mark your instructor says *stop*. What do you do?',
      options: [
        { text: 'Stop', right: true },
        { text: 'Ask why, and then stop', feedback: 'Why comes with the tea.' },
        { text: 'Finish the turn, so that the chain hangs straight', feedback: 'It may not hang at all.' },
      ],
    },
  ],
};

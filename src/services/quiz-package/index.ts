/** Quizzes as packages of QTI 3.0 (1EdTech), out and in. */
export { exportQuiz } from './export-quiz';
export { LARGEST_PACKAGE, type PackageRead, readQuizPackage } from './read-package';

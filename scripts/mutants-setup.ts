/** For mutants a property need only fail: which is the smallest case that shows it takes long and is read by nobody. */
import fc from 'fast-check';

fc.configureGlobal({ endOnFailure: true });

/** Gates: what they cover, who passes, and what everyone else gets. */
export * from './gate';
export * from './hosts';
export * from './parts';
export * from './remarks';
export * from './selection';
export * from './turn-away';
export * from './turn-aways';

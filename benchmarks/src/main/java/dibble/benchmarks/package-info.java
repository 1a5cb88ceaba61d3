/** Measurements, with JMH where it fits. Results and commands are in docs/performance.md. */
package dibble.benchmarks;

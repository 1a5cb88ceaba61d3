/** Measurements, with JMH where it fits. Results and commands stand in docs/performance.md. */
package dibble.benchmarks;

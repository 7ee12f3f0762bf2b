/** Test runs: the game as a process of its own, its output as it comes, and what its log says. */
package ironing.server.testrun;

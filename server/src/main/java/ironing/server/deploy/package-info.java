/**
 * Deploying and undeploying: the plan, applying it as a job, and what lies in the game folder now.
 */
package ironing.server.deploy;

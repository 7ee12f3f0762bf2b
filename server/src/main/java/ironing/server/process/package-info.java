/** Programs beside the server: the game and tools, each a process of its own. */
package ironing.server.process;

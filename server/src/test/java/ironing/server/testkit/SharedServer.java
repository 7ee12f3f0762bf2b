package ironing.server.testkit;

import ironing.core.testkit.Trees;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;

/**
 * One server for every test that does not restart or break its own. Each test makes workspaces of
 * its own there.
 */
public final class SharedServer implements ParameterResolver {
  private static final Namespace HERE = Namespace.create(SharedServer.class);

  /** Closed by JUnit after the last test. */
  private record Held(Path home, TestServer server) implements AutoCloseable {
    static Held start() {
      try {
        Path home = Files.createTempDirectory("ironing-server").toRealPath();
        return new Held(home, TestServer.start(home.resolve("home")));
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    @Override
    public void close() {
      server.close();
      Trees.remove(home);
    }
  }

  @Override
  public boolean supportsParameter(ParameterContext parameter, ExtensionContext context) {
    Class<?> type = parameter.getParameter().getType();
    return type == Api.class || type == TestServer.class;
  }

  @Override
  public Object resolveParameter(ParameterContext parameter, ExtensionContext context) {
    TestServer server =
        context
            .getRoot()
            .getStore(HERE)
            .getOrComputeIfAbsent("server", k -> Held.start(), Held.class)
            .server();
    return parameter.getParameter().getType() == Api.class ? server.api() : server;
  }
}

package ironing.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** The web server: HTTP API, persistence and background work around the core. */
@SpringBootApplication
public class IroningServer {
  public static void main(String[] args) {
    SpringApplication.run(IroningServer.class, args);
  }
}

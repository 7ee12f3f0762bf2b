package ironing.server.mends;

import ironing.core.mends.Contests;
import ironing.core.mends.RepeatedNames;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the core remembers of files by their content, one for all workspaces. */
@Configuration
class FileContests {
  @Bean
  Contests contests() {
    return new Contests();
  }

  @Bean
  RepeatedNames repeatedNames() {
    return new RepeatedNames();
  }
}

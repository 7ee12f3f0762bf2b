package ironing.server.workspace;

import ironing.core.format.PluginFormats;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The formats of plugins that all workspaces share. */
@Configuration
class KnownFormats {
  @Bean
  PluginFormats pluginFormats() {
    return new PluginFormats();
  }
}

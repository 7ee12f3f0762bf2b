package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Found;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/** What rules ask of the mods that bring plugins. */
public interface PluginFacts {
  /** Of a mod, for its plugins: the lower tier loads first. */
  record Band(int tier, String name) {}

  /** The tags of the mod that brings it. */
  Collection<String> tags(Found plugin);

  Optional<Band> band(Found plugin);

  /** Of plugins of which nothing more is known. */
  PluginFacts NONE =
      new PluginFacts() {
        @Override
        public Collection<String> tags(Found plugin) {
          return List.of();
        }

        @Override
        public Optional<Band> band(Found plugin) {
          return Optional.empty();
        }
      };
}

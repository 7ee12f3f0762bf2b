package ironing.core.workspace;

import ironing.core.records.Collisions;

/** How the records collide. Which files the mods hold is nothing to them. */
final class RecordCollisions implements Stage<Collisions> {
  private static final int BYTES_OF_EACH = 10;

  @Override
  public Collisions of(Workspace now) {
    return Collisions.in(
        now.game(), now.get(Stages.RECORDS).index(), now.picture().arrangement().decisions());
  }

  @Override
  public Collisions next(Workspace now, Collisions known) {
    boolean same =
        known.isOf(now.get(Stages.RECORDS).index(), now.picture().arrangement().decisions());
    return same ? known : of(now);
  }

  // what could not be read may be readable at the next look
  @Override
  public boolean lasts(Collisions value) {
    return value.complete();
  }

  @Override
  public long bytes(Collisions value) {
    return (long) BYTES_OF_EACH * value.size();
  }
}

using System.Collections.Immutable;

namespace Daxlin.Core.Schedules;

/// <summary>What is done by itself at set times.</summary>
/// <param name="Name">Small letters, digits and hyphens.</param>
public sealed record Schedule(string Name, DueTimes Due, ScheduledAct Act)
{
    /// <summary>What is done and when, in sentences.</summary>
    public ImmutableArray<string> Says => [$"{Due.Says}, by the clock of the service's machine:", .. Act.Says, DueTimes.SaysOfMissed];
}

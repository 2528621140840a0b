using System.Collections.Immutable;

namespace Daxlin.Core.Schedules;

/// <summary>What a schedule does when its time has come.</summary>
public abstract record ScheduledAct
{
    /// <summary>The key in documents: <c>posting</c> or <c>digest</c>.</summary>
    public abstract string Word { get; }

    /// <summary>The same in sentences.</summary>
    public abstract ImmutableArray<string> Says { get; }
}

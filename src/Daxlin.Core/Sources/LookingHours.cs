using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Sources;

/// <summary>When a source is looked at, by the clock of the service's machine.</summary>
/// <param name="From">From this time on.</param>
/// <param name="To">Up to this time, which is not of it any more; one that is not after <paramref name="From"/> is of the next day. 22:00 to 06:00 is a night.</param>
/// <param name="Days">On which such a time begins; the night of a Friday ends on Saturday.</param>
public sealed record LookingHours(TimeOnly From, TimeOnly To, ImmutableArray<DayOfWeek> Days)
{
    /// <param name="local">By the clock on the wall: where an hour comes twice in autumn, both are of it.</param>
    public bool Contain(DateTime local)
    {
        var (time, today) = (TimeOnly.FromDateTime(local), local.DayOfWeek);
        if (From < To)
            return Days.Contains(today) && time >= From && time < To;
        return (Days.Contains(today) && time >= From) || (Days.Contains(local.AddDays(-1).DayOfWeek) && time < To);
    }

    public string Says
    {
        get
        {
            var days = Weekdays.AreAll(Days) ? "" : $" on {Weekdays.Listed(Days)}";
            return string.Create(CultureInfo.InvariantCulture, $"It is looked at from {From:HH:mm} to {To:HH:mm}{(From < To ? "" : " of the next day")}{days}, by the clock of the service's machine; “Try now” looks at any time.");
        }
    }
}

using System.Collections.Immutable;

namespace Daxlin.Core.Corrections;

/// <summary>All corrections of an invoice from the oldest, those taken back and those that take back: nothing is ever dropped.</summary>
/// <example>
/// 1 enters a total; 2 takes 1 back; 3 takes 2 back, so that 1 holds again; 4 takes 3 back. Each is taken back once at most, so
/// two persons who do the same at once do it once.
/// </example>
public sealed class CorrectionHistory(IEnumerable<MadeCorrection> made)
{
    private readonly ImmutableArray<MadeCorrection> made = [.. made];

    /// <summary>The corrections that hold, from the oldest.</summary>
    public ImmutableArray<RecordedCorrection> Holding
    {
        get
        {
            // The newest say first what is taken back.
            var undone = new HashSet<int>();
            foreach (var one in made.Reverse())
            {
                if (one.Undoes is { } other && !undone.Contains(one.Id))
                    undone.Add(other);
            }
            return [.. made.Where(one => !undone.Contains(one.Id)).Select(one => one.What is { } what ? new RecordedCorrection(one.Id, what) : null).OfType<RecordedCorrection>()];
        }
    }

    /// <summary>Which one a new one must take back so that the last correction holds no more; null if none holds.</summary>
    public int? ToUndo => Holding is [.., var last] ? EndOf(last.Id) : null;

    /// <summary>Which one a new one must take back so that what was taken back last holds again; null if there is none.</summary>
    /// <remarks>Once something new was said, what was taken back before it stays so.</remarks>
    public int? ToRedo
    {
        get
        {
            var holding = Holding.Select(one => one.Id).ToHashSet();
            var newest = made.Where(one => one.What is not null).Select(one => one.Id).DefaultIfEmpty(0).Max();
            return made.Where(one => one.What is not null && !holding.Contains(one.Id)).Select(one => (int?)EndOf(one.Id)).Where(end => end > newest).Max();
        }
    }

    /// <summary>The last of those that take each other back, from a correction on.</summary>
    private int EndOf(int correction)
    {
        foreach (var one in made)
        {
            if (one.Undoes == correction)
                correction = one.Id;
        }
        return correction;
    }
}

using System.Collections.Immutable;

namespace Daxlin.Core.Values;

/// <summary>The days of a week as documents and sentences name them.</summary>
public static class Weekdays
{
    /// <summary>The words for them in documents, from Monday on.</summary>
    public static ImmutableArray<(string Word, DayOfWeek Day)> Words { get; } =
    [
        ("monday", DayOfWeek.Monday), ("tuesday", DayOfWeek.Tuesday), ("wednesday", DayOfWeek.Wednesday), ("thursday", DayOfWeek.Thursday), ("friday", DayOfWeek.Friday), ("saturday", DayOfWeek.Saturday),
        ("sunday", DayOfWeek.Sunday),
    ];

    /// <summary>The days from Monday on, whatever their order is; three and more that follow each other as Monday to Friday.</summary>
    public static string Listed(IReadOnlyCollection<DayOfWeek> days)
    {
        var said = new List<string>();
        for (var at = 0; at < Words.Length;)
        {
            var run = Words.Skip(at).TakeWhile(one => days.Contains(one.Day)).Count();
            if (run > 2)
                said.Add($"{Words[at].Day} to {Words[at + run - 1].Day}");
            else
                said.AddRange(Words.Skip(at).Take(run).Select(one => $"{one.Day}"));
            at += run + 1;
        }
        return string.Join(", ", said);
    }

    public static bool AreAll(IReadOnlyCollection<DayOfWeek> days) => days.Count == Words.Length;
}

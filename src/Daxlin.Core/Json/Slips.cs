namespace Daxlin.Core.Json;

/// <summary>Tells which known name another one is a slip of.</summary>
internal static class Slips
{
    /// <summary>Names this long may be two letters off and still be meant; shorter ones one; "tax" and "iban" are as they are.</summary>
    private const int Long = 7;
    private const int Short = 4;

    /// <summary>The known name that another differs from by capitals or by a letter or two; null if there is none, or it is one itself.</summary>
    public static string? Meant(string name, IReadOnlyCollection<string> settled) =>
        settled.Contains(name) ? null : settled.FirstOrDefault(known =>
            known.Equals(name, StringComparison.OrdinalIgnoreCase)
            || (known.Length >= Short && Math.Abs(known.Length - name.Length) <= MostSlips(name, known) && !IsNumbered(name, known) && Distance(known.ToLowerInvariant(), name.ToLowerInvariant()) <= MostSlips(name, known)));

    /// <summary>"weight" is two letters off "freight" and a word of its own; a slip keeps the first letter, mostly.</summary>
    private static int MostSlips(string name, string known) =>
        known.Length >= Long && name.Length > 0 && char.ToLowerInvariant(name[0]) == char.ToLowerInvariant(known[0]) ? 2 : 1;

    /// <summary>"total2" is a second one of its own, no slip.</summary>
    private static bool IsNumbered(string name, string known) => name.TrimEnd("0123456789".ToCharArray()) == known;

    /// <summary>How many letters one must add, drop, change or swap with their neighbour to make one name of the other (Damerau, 1964).</summary>
    private static int Distance(string from, string to)
    {
        var costs = new int[from.Length + 1, to.Length + 1];
        for (var i = 0; i <= from.Length; i++)
        {
            for (var j = 0; j <= to.Length; j++)
            {
                if (i == 0 || j == 0)
                {
                    costs[i, j] = i + j;
                    continue;
                }
                costs[i, j] = Math.Min(
                    Math.Min(costs[i - 1, j], costs[i, j - 1]) + 1, costs[i - 1, j - 1] + (from[i - 1] == to[j - 1] ? 0 : 1));
                if (i > 1 && j > 1 && from[i - 1] == to[j - 2] && from[i - 2] == to[j - 1])
                    costs[i, j] = Math.Min(costs[i, j], costs[i - 2, j - 2] + 1);
            }
        }
        return costs[from.Length, to.Length];
    }
}

using System.Collections.Immutable;
using System.Text;

namespace Daxlin.Core.Vendors;

/// <summary>The form of an invoice number: its letters and marks as they are, and how many figures stand where.</summary>
/// <example>"BC-29700" is BC-#5, and "2026/017 A" is #4/#3 A.</example>
public static class NumberForm
{
    /// <summary>
    /// So many approved numbers of one form must there be before another form is told. By the rule of succession a new form
    /// then comes once in eleven times at most for a vendor that has shown one form only.
    /// </summary>
    public const int FewestBefore = 10;

    public static string Of(string number)
    {
        var form = new StringBuilder();
        for (var at = 0; at < number.Length;)
        {
            var end = at;
            while (end < number.Length && char.IsAsciiDigit(number[end]))
                end++;
            form.Append(end > at ? "#" + (end - at) : char.ToUpperInvariant(number[at]).ToString());
            at = Math.Max(end, at + 1);
        }
        return form.ToString();
    }

    /// <summary>The one form that a vendor's approved numbers have; null if they have several, or are too few to say.</summary>
    public static string? Usual(ImmutableArray<string> before) =>
        before.Length >= FewestBefore && before.Select(Of).Distinct().ToList() is [var only] ? only : null;

    /// <summary>Says that a number is of another form than all before it; that its figures have run over to one more is none.</summary>
    /// <example>BC-100003 goes on from BC-99998.</example>
    public static bool IsUnusual(string number, ImmutableArray<string> before) => Usual(before) is { } usual && Of(number) != usual && !HasRunOver(number, before);

    private static bool HasRunOver(string number, ImmutableArray<string> before)
    {
        // One run of figures is one longer and begins with 1, and the same run was full of nines and eights before it: 99998.
        foreach (var other in before)
        {
            var start = 0;
            while (start < other.Length && start < number.Length && number[start] == other[start])
                start++;
            while (start > 0 && char.IsAsciiDigit(number[start - 1]))
                start--;
            var (now, then) = (RunAt(number, start), RunAt(other, start));
            if (now.Length == then.Length + 1 && now.StartsWith("10", StringComparison.Ordinal) && then.StartsWith('9') && number[(start + now.Length)..] == other[(start + then.Length)..])
                return true;
        }
        return false;
    }

    private static string RunAt(string text, int start) => string.Concat(text.Skip(start).TakeWhile(char.IsAsciiDigit));
}

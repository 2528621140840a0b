namespace Daxlin.Core.Values;

/// <summary>Tells a value that is printed again with more text behind it from another value.</summary>
/// <remarks>A page head repeats the number as "F2026-014 — page 2/3"; that is F2026-014. "F2026-0142" is another number.</remarks>
public static class SameValue
{
    public static bool Is(string value, string other) => value.Length <= other.Length ? IsBeginningOf(value, other) : IsBeginningOf(other, value);

    private static bool IsBeginningOf(string value, string longer) =>
        longer.StartsWith(value, StringComparison.Ordinal) && (longer.Length == value.Length || (value.Length > 0 && char.IsWhiteSpace(longer[value.Length])));
}

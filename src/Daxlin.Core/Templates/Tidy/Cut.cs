namespace Daxlin.Core.Templates.Tidy;

/// <summary>Keeps what stands after one text and up to another; nothing if either is not there.</summary>
/// <param name="After">What stands before the value; empty to begin at the start.</param>
/// <param name="UpTo">What stands behind it; empty to go on to the end.</param>
/// <example>After "No." up to "/" of "Order No. 4711 / Oslo" is 4711.</example>
public sealed record Cut(string After, string UpTo) : TidyStep
{
    public override string Name => After.Length > 0 ? "after" : "upTo";

    public override string Apply(string text)
    {
        var start = text.IndexOf(After, StringComparison.OrdinalIgnoreCase);
        if (start < 0)
            return "";
        start += After.Length;
        var end = UpTo.Length == 0 ? text.Length : text.IndexOf(UpTo, start, StringComparison.OrdinalIgnoreCase);
        return end < 0 ? "" : text[start..end].Trim();
    }
}

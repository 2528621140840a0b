namespace Daxlin.Core.Templates.Tidy;

/// <summary>Keeps one part of a text that a mark parts: the second of "INV/2026/014" by "/" is 2026.</summary>
/// <param name="Number">From 1; negative from the end: -1 is the last.</param>
/// <param name="By">The mark; one blank stands for any run of blanks.</param>
public sealed record Part(int Number, string By) : TidyStep
{
    public override string Name => "part";

    public override string Apply(string text)
    {
        var parts = By == " " ? text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries) : text.Split(By, StringSplitOptions.TrimEntries);
        var at = Number < 0 ? parts.Length + Number : Number - 1;
        return at >= 0 && at < parts.Length ? parts[at] : "";
    }
}

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Keeps one line of a text of several: the first of an address.</summary>
/// <param name="Number">From 1; negative from the end: -1 is the last.</param>
public sealed record OneLine(int Number) : TidyStep
{
    public override string Name => "line";

    public override string Apply(string text)
    {
        var lines = text.Split('\n');
        var at = Number < 0 ? lines.Length + Number : Number - 1;
        return at >= 0 && at < lines.Length ? lines[at].Trim() : "";
    }
}

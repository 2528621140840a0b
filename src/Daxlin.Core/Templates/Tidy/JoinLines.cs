namespace Daxlin.Core.Templates.Tidy;

/// <summary>Makes one line of several, with a mark between them.</summary>
public sealed record JoinLines(string With) : TidyStep
{
    public override string Name => "join";

    public override string Apply(string text) => string.Join(With, text.Split('\n', StringSplitOptions.TrimEntries));
}

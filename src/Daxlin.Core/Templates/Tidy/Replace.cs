namespace Daxlin.Core.Templates.Tidy;

/// <summary>Puts one text in another's place.</summary>
public sealed record Replace(string Text, string With) : TidyStep
{
    public override string Name => "replace";

    public override string Apply(string text) => text.Replace(Text, With, StringComparison.Ordinal).Trim();
}

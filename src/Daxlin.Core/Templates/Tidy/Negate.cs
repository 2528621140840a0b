namespace Daxlin.Core.Templates.Tidy;

/// <summary>Turns a number's sign: a credit that is printed without its minus.</summary>
public sealed record Negate : TidyStep
{
    public override string Name => "negate";

    public override string Apply(string text)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0)
            return "";
        return trimmed[0] is '-' or '\u2212' ? trimmed[1..].TrimStart()
            : trimmed[^1] is '-' or '\u2212' ? trimmed[..^1].TrimEnd()
            : "-" + trimmed;
    }
}

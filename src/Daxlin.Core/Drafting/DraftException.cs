namespace Daxlin.Core.Drafting;

/// <summary>Nothing can be drafted from the samples; the message says why, to a clerk.</summary>
/// <param name="code">A stable word: no-text.</param>
public sealed class DraftException(string code, string message) : Exception(message)
{
    public string Code { get; } = code;
}

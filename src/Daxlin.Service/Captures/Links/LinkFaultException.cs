namespace Daxlin.Service.Captures.Links;

/// <summary>What a link points to was not fetched; the message says why.</summary>
/// <param name="code">A stable word.</param>
internal sealed class LinkFaultException(string code, string message, Exception? inner = null) : Exception(message, inner)
{
    public string Code { get; } = code;
}

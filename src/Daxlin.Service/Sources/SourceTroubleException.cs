namespace Daxlin.Service.Sources;

/// <summary>A source cannot be looked at: the message says why, for whoever set it up.</summary>
internal sealed class SourceTroubleException(string message, Exception? inner = null) : Exception(message, inner)
{
    public static SourceTroubleException NotKept(string secret) =>
        new($"The secret “{secret}” is not kept here yet; keep it on the source's page, or by ./daxlin secret keep {secret}.");
}

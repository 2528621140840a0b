namespace Daxlin.Service.Sources;

/// <summary>A source cannot be looked at: the message says why, for whoever set it up.</summary>
internal sealed class SourceTroubleException(string message, Exception? inner = null) : Exception(message, inner);

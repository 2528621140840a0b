namespace Daxlin.Service.Storage;

/// <summary>One version of a receiver of posting runs. To one that is retired, nothing is delivered any more.</summary>
public sealed class ReceiverVersion : NamedDocument;

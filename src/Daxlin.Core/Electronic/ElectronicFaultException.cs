namespace Daxlin.Core.Electronic;

/// <summary>An electronic invoice cannot be read; the message is a sentence for a clerk.</summary>
public sealed class ElectronicFaultException(string message, Exception? inner = null) : Exception(message, inner);

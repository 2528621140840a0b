namespace Daxlin.Service.Captures.Links;

/// <summary>What a link points to was not fetched; the message says why.</summary>
/// <param name="status">Of the answer to whoever sent the link.</param>
/// <param name="code">A stable word.</param>
internal sealed class LinkFaultException(int status, string code, string message, Exception? inner = null) : Exception(message, inner)
{
    public int Status { get; } = status;

    public string Code { get; } = code;

    /// <summary>It is no link.</summary>
    public static LinkFaultException Faulty(string message, Exception? inner = null) => new(StatusCodes.Status422UnprocessableEntity, "link-faulty", message, inner);

    /// <summary>Nothing is fetched from there.</summary>
    public static LinkFaultException Refused(string message) => new(StatusCodes.Status422UnprocessableEntity, "link-refused", message);

    public static LinkFaultException NotThere(string message) => new(StatusCodes.Status502BadGateway, "link-not-there", message);

    public static LinkFaultException NotReached(string message, Exception inner) => new(StatusCodes.Status502BadGateway, "link-not-reached", message, inner);
}

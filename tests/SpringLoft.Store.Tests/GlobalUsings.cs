global using NodaTime;
global using SpringLoft.Tests.Shared;
